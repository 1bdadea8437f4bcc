import { Controller, Get, Query } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { textOf } from '../platform/index.js';
import { PictureForDto } from './items.dto.js';
import { PicturesService } from './pictures.service.js';

const MOST_NAMES = 100;

@Controller('api/pictures')
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  /** Which items files are pictures of, by their names without endings: `names` with commas between, 100 at most. */
  @Get()
  @Access('items')
  named(@Query('names') names?: string): Promise<PictureForDto[]> {
    return this.pictures.named((textOf(names) ?? '').split(',').filter(Boolean).slice(0, MOST_NAMES));
  }
}
