import { Module } from '@nestjs/common';
import { ChannelsController } from './channels.controller.js';
import { ChannelsService } from './channels.service.js';
import { ChannelsFiles } from './channels.files.js';

@Module({ controllers: [ChannelsController], providers: [ChannelsFiles, ChannelsService], exports: [ChannelsService] })
export class ChannelsModule {}
