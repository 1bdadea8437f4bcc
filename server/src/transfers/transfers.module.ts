import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CarriersModule } from '../carriers/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { StockModule } from '../stock/index.js';
import { GatheredDocuments } from './gathered-documents.js';
import { TransferParcelsController } from './parcels.controller.js';
import { TransferParcels } from './parcels.service.js';
import { SettingApart } from './setting-apart.service.js';
import { TakingIn } from './taking-in.service.js';
import { TransferPapers } from './transfer-papers.js';
import { TransfersController } from './transfers.controller.js';
import { TransfersFloor } from './transfers.floor.js';
import { TransfersQueries } from './transfers.queries.js';
import { Transfers } from './transfers.service.js';

/** Goods that go from one site to another. */
@Module({
  imports: [StockModule, CarriersModule, CatalogueModule, AllocationModule],
  controllers: [TransferParcelsController, TransfersController],
  providers: [GatheredDocuments, SettingApart, TakingIn, TransferParcels, Transfers, TransfersFloor, TransferPapers, TransfersQueries],
  exports: [GatheredDocuments, SettingApart, TransferParcels, Transfers, TransfersQueries],
})
export class TransfersModule {}
