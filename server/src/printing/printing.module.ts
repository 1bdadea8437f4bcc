import { Module } from '@nestjs/common';
import { LabelRecords } from './label-records.js';
import { LabelsController } from './labels.controller.js';
import { LabelsService } from './labels.service.js';
import { Printer } from './printer.js';

@Module({ controllers: [LabelsController], providers: [Printer, LabelsService, LabelRecords], exports: [LabelsService] })
export class PrintingModule {}
