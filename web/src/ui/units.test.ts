import { lengthText, showUnits, weightText } from './units';

describe('weights and lengths', () => {
  afterEach(() => showUnits('kilograms and millimetres'));
  it('are shown in kilograms and millimetres', () => {
    expect([weightText(245), weightText(12_500), lengthText(80, 80, 110)]).toEqual(['0.25 kg', '12.5 kg', '80 × 80 × 110 mm']);
  });
  it('are shown in pounds and inches where the company likes it so', () => {
    showUnits('pounds and inches');
    expect([weightText(453.592_37), lengthText(254, 127)]).toEqual(['1 lb', '10 × 5 in']);
  });
});
