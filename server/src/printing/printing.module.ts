import { Module } from '@nestjs/common';
import { clearByAge, Retention } from '../platform/index.js';
import { LabelRecords } from './label-records.js';
import { LabelsController } from './labels.controller.js';
import { LabelsService } from './labels.service.js';
import { Papers } from './papers.js';
import { PrintQueue } from './print-queue.js';
import { Printer } from './printer.js';

@Module({
  controllers: [LabelsController],
  providers: [Printer, PrintQueue, Papers, LabelsService, LabelRecords],
  exports: [LabelsService, Papers],
})
export class PrintingModule {
  constructor(retention: Retention) {
    retention.register({
      what: 'print jobs',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearByAge(s, 'print_job', 'created_at', before),
    });
  }
}
