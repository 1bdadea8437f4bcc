import { Module } from '@nestjs/common';
import { CustomersController } from './customers.controller.js';
import { CustomersService } from './customers.service.js';
import { CustomersFiles } from './customers.files.js';

@Module({ controllers: [CustomersController], providers: [CustomersFiles, CustomersService], exports: [CustomersService] })
export class CustomersModule {}
