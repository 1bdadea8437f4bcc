import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { FirstOwnerDto } from './company.dto.js';
import { FoundingService } from './founding.service.js';

@Controller('api/first-owner')
export class FoundingController {
  constructor(private readonly founding: FoundingService) {}

  @Post()
  @Access('public')
  @HttpCode(204)
  firstOwner(@Body() body: FirstOwnerDto): Promise<void> {
    return this.founding.found(body);
  }
}
