import { Controller, Get } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { Drawings } from './drawings.service.js';
import { DrawingDto } from './items.dto.js';

@Controller('api/drawings')
export class DrawingsController {
  constructor(private readonly drawings: Drawings) {}

  @Get()
  @Access('signed-in')
  list(): DrawingDto[] {
    return this.drawings.list();
  }
}
