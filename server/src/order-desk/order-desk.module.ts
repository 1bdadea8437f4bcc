import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { ChannelsModule } from '../channels/index.js';
import { OrdersModule } from '../orders/index.js';
import { PackingModule } from '../packing/index.js';
import { PickingModule } from '../picking/index.js';
import { TransfersModule } from '../transfers/index.js';
import { BulkService } from './bulk.service.js';
import { CancellingService } from './cancelling.service.js';
import { EditingService } from './editing.service.js';
import { EntryService } from './entry.service.js';
import { FetchingService } from './fetching.service.js';
import { FollowingService } from './following.service.js';
import { GivingService } from './giving.service.js';
import { GoodsQueries } from './goods.queries.js';
import { HistoryQueries } from './history.queries.js';
import { HoldersQueries } from './holders.queries.js';
import { HoldsService } from './holds.service.js';
import { OrderDeskController } from './order-desk.controller.js';
import { OrderMail } from './order.mail.js';
import { LettersService } from './letters.service.js';
import { OwnersQueries } from './owners.queries.js';
import { ProjectionQueries } from './projection.queries.js';
import { SplittingService } from './splitting.service.js';
import { TakingBack } from './taking-back.js';

@Module({
  imports: [OrdersModule, AllocationModule, ChannelsModule, PickingModule, PackingModule, TransfersModule],
  controllers: [OrderDeskController],
  providers: [
    BulkService,
    EntryService,
    EditingService,
    FetchingService,
    HoldsService,
    CancellingService,
    FollowingService,
    TakingBack,
    HistoryQueries,
    GivingService,
    GoodsQueries,
    HoldersQueries,
    LettersService,
    OwnersQueries,
    ProjectionQueries,
    SplittingService,
    OrderMail,
  ],
  exports: [FollowingService, EntryService, HoldsService, CancellingService],
})
export class OrderDeskModule {}
