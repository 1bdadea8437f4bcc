import { Body, Controller, Get, Param, Post, Put, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { CustomerDto, CustomerSheetDto, EditCustomerDto } from './customers.dto.js';
import { CustomersService } from './customers.service.js';

@Controller('api/customers')
export class CustomersController {
  constructor(private readonly customers: CustomersService) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'search', required: false, type: String })
  list(@Query('search') search?: string): Promise<CustomerDto[]> {
    return this.customers.list(String(search ?? '').slice(0, 100));
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<CustomerSheetDto> {
    return this.customers.sheet(code.toUpperCase(), person.siteIds);
  }

  @Post()
  @Access('order-desk')
  add(@Acting() act: Act, @Body() body: EditCustomerDto): Promise<CodeDto> {
    return this.customers.add(act, body);
  }

  @Put(':code')
  @Access('order-desk')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditCustomerDto): Promise<CodeDto> {
    return this.customers.edit(act, code.toUpperCase(), version, body);
  }
}
