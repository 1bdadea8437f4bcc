import type { Active, DndContextProps, KeyboardCoordinateGetter, Over } from '@dnd-kit/core';

/** What is carried by keys goes from one place to the next with each press of an arrow, whatever lies between them. */
export const byPlaces: KeyboardCoordinateGetter = (event, { context, currentCoordinates }) => {
  const step =
    event.code === 'ArrowDown' || event.code === 'ArrowRight' ? 1 : event.code === 'ArrowUp' || event.code === 'ArrowLeft' ? -1 : 0;
  if (step === 0) return undefined;
  event.preventDefault();
  const isRound = String(context.active?.id ?? '').startsWith('carry/');
  const places = [...context.droppableContainers.toArray()]
    .filter((c) => !c.disabled && String(c.id).startsWith('person/') === isRound)
    .flatMap((c) => {
      const rect = context.droppableRects.get(c.id);
      return rect ? [{ id: c.id, rect }] : [];
    })
    .sort((a, b) => a.rect.top - b.rect.top);
  const at = places.findIndex((p) => p.id === context.over?.id);
  const next = places[at < 0 ? 0 : Math.min(places.length - 1, Math.max(0, at + step))];
  return next ? { x: next.rect.left + 8, y: next.rect.top + 8 } : currentCoordinates;
};

const whatOf = ({ id }: Active) => (String(id).startsWith('carry/') ? `Round ${Number(String(id).slice(6)) + 1}` : String(id).slice(6));
function whereOf(over: Over | null): string {
  const id = String(over?.id ?? '');
  if (id.startsWith('round/')) return `round ${Number(id.slice(6)) + 1}`;
  if (id === 'new') return 'a round of its own';
  if (id === 'waiting') return 'those on no round';
  return id.startsWith('person/') ? 'a person' : 'nowhere';
}

/** What is said of carrying to those who do not see it. */
export const CARRYING: NonNullable<DndContextProps['accessibility']> = {
  screenReaderInstructions: {
    draggable: 'Space takes it up. Arrows carry it from round to round. Space lets it go, Escape puts it back.',
  },
  announcements: {
    onDragStart: ({ active }) => `${whatOf(active)} taken up`,
    onDragOver: ({ active, over }) => `${whatOf(active)} over ${whereOf(over)}`,
    onDragEnd: ({ active, over }) => `${whatOf(active)} put on ${whereOf(over)}`,
    onDragCancel: ({ active }) => `${whatOf(active)} put back`,
  },
};
