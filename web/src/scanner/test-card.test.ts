import { CARD, readTestCard } from './test-card';
import type { PressedKey } from './wedge-reader';

type Sent = string | Omit<PressedKey, 'at'>;
const keys = (sent: readonly Sent[], gap = 8): PressedKey[] =>
  sent.map((k, i) => ({ ...(typeof k === 'string' ? { key: k } : k), at: i * gap }));
const card = ({ lot = String(CARD.lot), between = ['\u001d'] as Sent[], before = '', behind = ['Enter'] as Sent[] } = {}): Sent[] => [
  ...before,
  ...`01${CARD.gtin}10${lot}`,
  ...between,
  ...`17${CARD.date}`,
  ...behind,
];
const wrong = (sent: Sent[], gap?: number) =>
  readTestCard(keys(sent, gap))
    .remarks.filter((r) => !r.good)
    .map((r) => r.says);

describe('what a test card tells of a scanner', () => {
  it('has nothing against one that sends everything', () => {
    const { profile, remarks } = readTestCard(keys(card({ before: ']C1' })));
    expect(remarks.every((r) => r.good)).toBe(true);
    expect(profile).toEqual({ separators: [], prefix: '', suffix: '', gapMs: 12, separatorsSeen: true });
  });

  it.each<[string, Sent[], string[]]>([
    ['a control key', [{ key: 'Control' }, { key: 'g', ctrl: true }], ['Ctrl+g']],
    ['a function key', [{ key: 'F9' }], ['F9']],
    ['written', [...'{GS}'], []],
    [
      'its number',
      [
        { key: '0', alt: true },
        { key: '2', alt: true },
        { key: '9', alt: true },
      ],
      [],
    ],
  ])('learns the separator as %s', (_, between, separators) => {
    expect(readTestCard(keys(card({ between }))).profile).toMatchObject({ separators, separatorsSeen: true });
  });

  it('says that none came, and that such codes are refused', () => {
    const { profile, remarks } = readTestCard(keys(card({ between: [] })));
    expect(profile?.separatorsSeen).toBe(false);
    expect(remarks.find((r) => !r.good)).toMatchObject({ says: 'It sends no separator between lot and date' });
  });

  it('does not take a sign for the separator that codes may have', () => {
    expect(wrong(card({ between: ['#'] }))).toEqual(['It sends # for the separator, which could be part of a code']);
  });

  it('learns what stands before and behind, and the pace', () => {
    const sent = card({ before: '#]d2', behind: ['$', 'Tab'] });
    expect(readTestCard(keys(sent, 90)).profile).toMatchObject({ prefix: '#', suffix: '$', gapMs: 135 });
    expect(readTestCard(keys(card({ behind: [] }))).remarks.map((r) => r.says)).toContain(
      'It sends no Enter: a code counts a moment after its last sign',
    );
  });

  it.each([
    ['AZ-7Y', /Capitals/],
    ['Az-7Y', /Capitals/],
    ['aYß7z', /another keyboard/],
  ])('sees a wrong keyboard in %s, and learns nothing from it', (lot, says) => {
    expect(wrong(card({ lot }))[0]).toMatch(says);
    expect(readTestCard(keys(card({ lot }))).profile).toBeUndefined();
  });

  it('sees a keyboard whose figures need the shift key, and what is no test card', () => {
    expect(wrong([...'àèç(é&é"\'(\'"é&"&àqW6èy&èéç&é"&', 'Enter'])[0]).toMatch(/figures came as other signs/);
    expect(wrong([...'9506000134352', 'Enter'])[0]).toMatch(/not the test card: 9506000134352/);
    expect(wrong(card().slice(0, 20))).toContain('The end of the card did not come');
  });
});
