import { Body, Controller, Get, Param, Post, Put, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { CustomerPageDto, CustomerSheetDto, EditCustomerDto } from './customers.dto.js';
import { CustomersService } from './customers.service.js';

@Controller('api/customers')
export class CustomersController {
  constructor(private readonly customers: CustomersService) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'search', required: false, type: String })
  @Windowed()
  list(@AskedWindow() window: Window, @Query('search') search?: string): Promise<CustomerPageDto> {
    return this.customers.list(textOf(search, 100), window);
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
