import { Body, Controller, Get, HttpCode, Param, Put } from '@nestjs/common';
import { badForm, type Person, Reader } from '../platform/index.js';
import { Access } from './access.js';
import { PreferenceDto } from './identity.dto.js';
import { PreferencesService } from './preferences.service.js';

const NAME = /^[a-z-]{1,40}$/;
const MOST_CHARACTERS = 20_000;

/** What a person has arranged for themselves: the columns of a list, their saved views. */
@Controller('api/preferences')
export class PreferencesController {
  constructor(private readonly preferences: PreferencesService) {}

  @Get(':name')
  @Access('signed-in')
  async read(@Reader() person: Person, @Param('name') name: string): Promise<PreferenceDto> {
    return { value: await this.preferences.read(person.id, name) };
  }

  @Put(':name')
  @Access('signed-in')
  @HttpCode(204)
  async keep(@Reader() person: Person, @Param('name') name: string, @Body() body: PreferenceDto): Promise<void> {
    if (!NAME.test(name)) throw badForm({ name: 'A preference is named with small letters and hyphens' });
    const text = JSON.stringify(body.value);
    if (text.length > MOST_CHARACTERS) throw badForm({ value: 'This is too much to keep. Take some saved views out' });
    await this.preferences.keep(person.id, name, text);
  }
}
