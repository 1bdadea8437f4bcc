import { House1790000000001 } from './0001-house.js';
import { Catalogue1790000000002 } from './0002-catalogue.js';
import { Stock1790000000003 } from './0003-stock.js';
import { Purchasing1790000000004 } from './0004-purchasing.js';
import { Orders1790000000005 } from './0005-orders.js';
import { ItemsInFull1790000000006 } from './0006-items-in-full.js';
import { Exchange1790000000007 } from './0007-exchange.js';
import { Plan1790000000008 } from './0008-plan.js';
import { Labels1790000000009 } from './0009-labels.js';
import { Company1790000000010 } from './0010-company.js';
import { Arrivals1790000000011 } from './0011-arrivals.js';
import { Buying1790000000012 } from './0012-buying.js';
import { Value1790000000013 } from './0013-value.js';
import { SupplierReturns1790000000014 } from './0014-supplier-returns.js';
import { Conditions1790000000015 } from './0015-conditions.js';
import { Inspection1790000000016 } from './0016-inspection.js';
import { DoorsAndFiles1790000000017 } from './0017-doors-and-files.js';
import { SupplierKeys1790000000018 } from './0018-supplier-keys.js';
import { Floor1790000000019 } from './0019-floor.js';
import { Reservations1790000000020 } from './0020-reservations.js';
import { ParkedMessages1790000000023 } from './0023-parked-messages.js';
import { SignInTries1790000000024 } from './0024-sign-in-tries.js';
import { Reach1790000000025 } from './0025-reach.js';
import { Years1790000000026 } from './0026-years.js';
import { OrderDesk1790000000027 } from './0027-order-desk.js';
import { Connectors1790000000028 } from './0028-connectors.js';
import { RoundsOfMany1790000000029 } from './0029-rounds-of-many.js';
import { Refills1790000000030 } from './0030-refills.js';
import { SpotCounts1790000000031 } from './0031-spot-counts.js';
import { SortingWalls1790000000032 } from './0032-sorting-walls.js';
import { SharedWalks1790000000033 } from './0033-shared-walks.js';
import { DailyRuns1790000000034 } from './0034-daily-runs.js';
import { PackedFromTheShelf1790000000035 } from './0035-packed-from-the-shelf.js';
import { ScannedPieceByPiece1790000000036 } from './0036-scanned-piece-by-piece.js';
import { BoxesAndLabels1790000000037 } from './0037-boxes-and-labels.js';
import { Loading1790000000038 } from './0038-loading.js';
import { WhatGoesAlong1790000000039 } from './0039-what-goes-along.js';
import { MendedImports1790000000040 } from './0040-mended-imports.js';
import { PeopleWithoutMail1790000000041 } from './0041-people-without-mail.js';
import { UnmatchedCodes1790000000042 } from './0042-unmatched-codes.js';
import { Invoices1790000000043 } from './0043-invoices.js';
import { CustomerReturns1790000000044 } from './0044-customer-returns.js';
import { Timetables1790000000045 } from './0045-timetables.js';
import { CustomerCurrencies1790000000046 } from './0046-customer-currencies.js';
import { Counts1790000000047 } from './0047-counts.js';
import { OwnUse1790000000048 } from './0048-own-use.js';
import { Transfers1790000000049 } from './0049-transfers.js';
import { Recalls1790000000050 } from './0050-recalls.js';
import { Builds1790000000051 } from './0051-builds.js';
import { Earmarks1790000000052 } from './0052-earmarks.js';
import { OrdersByDay1790000000053 } from './0053-orders-by-day.js';
import { Planning1790000000054 } from './0054-planning.js';
import { FeedKeys1790000000055 } from './0055-feed-keys.js';
import { Carts1790000000056 } from './0056-carts.js';
import { ActPictures1790000000057 } from './0057-act-pictures.js';
import { OrderDays1790000000058 } from './0058-order-days.js';
import { OneRule1790000000059 } from './0059-one-rule.js';
import { ParcelsBetweenSites1790000000060 } from './0060-parcels-between-sites.js';
import { PicturedCounts1790000000061 } from './0061-pictured-counts.js';
import { BalancesBySite1790000000062 } from './0062-balances-by-site.js';
import { RoomForGoods1790000000063 } from './0063-room-for-goods.js';
import { Versions1790000000022 } from './0022-versions.js';
import { Carriers1790000000021 } from './0021-carriers.js';

/** In the order in which they run. */
export const migrations = [
  House1790000000001,
  Catalogue1790000000002,
  Stock1790000000003,
  Purchasing1790000000004,
  Orders1790000000005,
  ItemsInFull1790000000006,
  Exchange1790000000007,
  Plan1790000000008,
  Labels1790000000009,
  Company1790000000010,
  Arrivals1790000000011,
  Buying1790000000012,
  Value1790000000013,
  SupplierReturns1790000000014,
  Conditions1790000000015,
  Inspection1790000000016,
  DoorsAndFiles1790000000017,
  SupplierKeys1790000000018,
  Floor1790000000019,
  Reservations1790000000020,
  Carriers1790000000021,
  Versions1790000000022,
  ParkedMessages1790000000023,
  SignInTries1790000000024,
  Reach1790000000025,
  Years1790000000026,
  OrderDesk1790000000027,
  Connectors1790000000028,
  RoundsOfMany1790000000029,
  Refills1790000000030,
  SpotCounts1790000000031,
  SortingWalls1790000000032,
  SharedWalks1790000000033,
  DailyRuns1790000000034,
  PackedFromTheShelf1790000000035,
  ScannedPieceByPiece1790000000036,
  BoxesAndLabels1790000000037,
  Loading1790000000038,
  WhatGoesAlong1790000000039,
  MendedImports1790000000040,
  PeopleWithoutMail1790000000041,
  UnmatchedCodes1790000000042,
  Invoices1790000000043,
  CustomerReturns1790000000044,
  Timetables1790000000045,
  CustomerCurrencies1790000000046,
  Counts1790000000047,
  OwnUse1790000000048,
  Transfers1790000000049,
  Recalls1790000000050,
  Builds1790000000051,
  Earmarks1790000000052,
  OrdersByDay1790000000053,
  Planning1790000000054,
  FeedKeys1790000000055,
  Carts1790000000056,
  ActPictures1790000000057,
  OrderDays1790000000058,
  OneRule1790000000059,
  ParcelsBetweenSites1790000000060,
  PicturedCounts1790000000061,
  BalancesBySite1790000000062,
  RoomForGoods1790000000063,
];
