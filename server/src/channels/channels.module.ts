import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { ChannelStock } from './channel-stock.js';
import { ChannelsController } from './channels.controller.js';
import { ChannelsService } from './channels.service.js';
import { ChannelsFiles } from './channels.files.js';

@Module({
  imports: [AllocationModule],
  controllers: [ChannelsController],
  providers: [ChannelsFiles, ChannelsService, ChannelStock],
  exports: [ChannelsService, ChannelStock],
})
export class ChannelsModule {}
