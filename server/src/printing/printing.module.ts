import { Module } from '@nestjs/common';
import { OutboxController } from './outbox.controller.js';
import { Printer } from './printer.js';

@Module({ controllers: [OutboxController], providers: [Printer], exports: [Printer] })
export class PrintingModule {}
