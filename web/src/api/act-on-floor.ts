import type { FloorCommand } from '@vectrum/core/scan';
import { api, ask, type Dto } from './client';

/** Does at a desk what is usually done on the floor: through the same door, but at once, since somebody waits for the answer. */
export function actOnFloor(person: Pick<Dto['MeDto'], 'id'> | undefined, command: FloorCommand): Promise<Dto['FloorAnswerDto']> {
  const body = { command, madeAt: new Date().toISOString(), madeBy: person?.id ?? 0, late: false };
  return ask(api.POST('/api/floor/commands', { body, headers: { 'idempotency-key': command.id } }));
}
