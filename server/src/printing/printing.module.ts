import { Module } from '@nestjs/common';
import { LabelRecords } from './label-records.js';
import { LabelsController } from './labels.controller.js';
import { LabelsService } from './labels.service.js';
import { OutboxController } from './outbox.controller.js';
import { Printer } from './printer.js';

@Module({ controllers: [OutboxController, LabelsController], providers: [Printer, LabelsService, LabelRecords], exports: [LabelsService] })
export class PrintingModule {}
