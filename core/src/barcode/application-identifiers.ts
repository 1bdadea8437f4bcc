/**
 * The GS1 application identifiers and the form of their values.
 * Source: GS1 General Specifications, section 3 (an open standard).
 *
 * A form is a list of components, each `N` (digits), `X` (the 82 invariant characters), `Y` (the 39 of component
 * part ids) or `Z` (base64url), a length (`6` fixed, `..20` up to twenty), and a rule after a colon where one applies.
 * A component in square brackets may be absent.
 */
const TABLE = `
00 N18:csum
01 N14:csum
02 N14:csum
03 N14:csum
10 X..20
11 N6:date
12 N6:date
13 N6:date
15 N6:date
16 N6:date
17 N6:date
20 N2
21 X..20
22 X..20
30 N..8
37 N..8
235 X..28
240 X..30
241 X..30
242 N..6
243 X..20
250 X..30
251 X..30
253 N13:csum [X..17]
254 X..20
255 N13:csum [N..12]
400 X..30
401 X..30
402 N17:csum
403 X..30
410 N13:csum
411 N13:csum
412 N13:csum
413 N13:csum
414 N13:csum
415 N13:csum
416 N13:csum
417 N13:csum
420 X..20
421 N3 X..9
422 N3
423 N3 [N..12]
424 N3
425 N3 [N..12]
426 N3
427 X..3
710 X..20
711 X..20
712 X..20
713 X..20
714 X..20
715 X..20
716 X..20
717 X..20
4300 X..35
4301 X..35
4302 X..70
4303 X..70
4304 X..70
4305 X..70
4306 X..70
4307 X2
4308 X..30
4309 N20
4310 X..35
4311 X..35
4312 X..70
4313 X..70
4314 X..70
4315 X..70
4316 X..70
4317 X2
4318 X..20
4319 X..30
4320 X..35
4321 N1
4322 N1
4323 N1
4324 N10:datetime0
4325 N10:datetime0
4326 N6:date
4330 N6 [X1]
4331 N6 [X1]
4332 N6 [X1]
4333 N6 [X1]
7001 N13
7002 X..30
7003 N10:datetime
7004 N..4
7005 X..12
7006 N6:date
7007 N6:date [N6:date]
7008 X..3
7009 X..10
7010 X..2
7011 N6:date [N4:hhmm]
7020 X..20
7021 X..20
7022 X..20
7023 X..30
7030 N3 X..27
7031 N3 X..27
7032 N3 X..27
7033 N3 X..27
7034 N3 X..27
7035 N3 X..27
7036 N3 X..27
7037 N3 X..27
7038 N3 X..27
7039 N3 X..27
7040 N1 X1 X1 X1
7041 X..4
7230 X2 X..28
7231 X2 X..28
7232 X2 X..28
7233 X2 X..28
7234 X2 X..28
7235 X2 X..28
7236 X2 X..28
7237 X2 X..28
7238 X2 X..28
7239 X2 X..28
7240 X..20
7241 N2
7242 X..25
7250 N8:birth
7251 N12:birthtime
7252 N1
7253 X..40
7254 X..40
7255 X..10
7256 X..90
7257 X..70
7258 X3
7259 X..40
8001 N14
8002 X..20
8003 N14:csum [X..16]
8004 X..30
8005 N6
8006 N14:csum N4
8007 X..34
8008 N8:datehour [N..4:minsec]
8009 X..50
8010 Y..30
8011 N..12
8012 X..20
8013 X..25:pair
8014 X..25:pair
8017 N18:csum
8018 N18:csum
8019 N..10
8020 X..25
8026 N14:csum N4
8030 Z..90
8040 X..70
8041 X..70
8042 X..70
8043 X..4
8110 X..70
8111 N4
8112 X..70
8200 X..70
90 X..30
91 X..90
92 X..90
93 X..90
94 X..90
95 X..90
96 X..90
97 X..90
98 X..90
99 X..90
`;

/** The rule a component's digits must keep, beyond their count. */
export type Rule = 'csum' | 'pair' | 'date' | 'datetime' | 'datetime0' | 'datehour' | 'minsec' | 'hhmm' | 'birth' | 'birthtime';

/** One part of a value: which characters, how many, which rule. */
export interface Component {
  set: 'N' | 'X' | 'Y' | 'Z';
  min: number;
  max: number;
  optional: boolean;
  rule?: Rule;
}

/** What the standard says about one application identifier. */
export interface AiForm {
  ai: string;
  components: readonly Component[];
  /** Shortest and longest value, in characters. */
  min: number;
  max: number;
  /** True where no separator is needed after the value in an element string. */
  predefined: boolean;
  /** Digits after the decimal point, where the identifier's last digit says so; the point counts from `amountFrom`. */
  decimals?: number;
  amountFrom?: number;
}

/** First two digits of the identifiers whose length is known in advance (General Specifications, figure 7.8.5-2). */
const PREDEFINED = new Set('00 01 02 03 04 11 12 13 14 15 16 17 18 19 20 31 32 33 34 35 36 41'.split(' '));

function readComponent(text: string): Component {
  const optional = text.startsWith('[');
  const [form = '', rule] = text.replace(/[[\]]/g, '').split(':');
  const set = form[0] as Component['set'];
  const upTo = form.includes('..');
  const max = Number(form.slice(upTo ? 3 : 1));
  return { set, min: upTo ? 1 : max, max, optional, ...(rule ? { rule: rule as Rule } : {}) };
}

function form(ai: string, spec: string, extra: Partial<AiForm> = {}): AiForm {
  const components = spec.split(' ').map(readComponent);
  return {
    ai,
    components,
    min: components.reduce((sum, c) => sum + (c.optional ? 0 : c.min), 0),
    max: components.reduce((sum, c) => sum + c.max, 0),
    predefined: PREDEFINED.has(ai.slice(0, 2)),
    ...extra,
  };
}

/** Measures and amounts: the fourth digit of the identifier places the decimal point. */
const WITH_POINT: readonly [first: number, last: number, points: number, spec: string, amountFrom: number][] = [
  [310, 316, 5, 'N6', 0],
  [320, 337, 5, 'N6', 0],
  [340, 357, 5, 'N6', 0],
  [360, 369, 5, 'N6', 0],
  [390, 390, 9, 'N..15', 0],
  [391, 391, 9, 'N3 N..15', 3],
  [392, 392, 9, 'N..15', 0],
  [393, 393, 9, 'N3 N..15', 3],
  [394, 394, 3, 'N4', 0],
  [395, 395, 5, 'N6', 0],
];

function build(): Map<string, AiForm> {
  const forms = new Map<string, AiForm>();
  for (const row of TABLE.trim().split('\n')) {
    const cut = row.indexOf(' ');
    const ai = row.slice(0, cut);
    forms.set(ai, form(ai, row.slice(cut + 1)));
  }
  for (const [first, last, points, spec, amountFrom] of WITH_POINT) {
    for (let stem = first; stem <= last; stem++) {
      for (let n = 0; n <= points; n++) {
        forms.set(`${stem}${n}`, form(`${stem}${n}`, spec, { decimals: n, amountFrom }));
      }
    }
  }
  return forms;
}

const FORMS = build();

/** The form of an identifier, or undefined where the standard knows none. O(1). */
export function formOf(ai: string): AiForm | undefined {
  return FORMS.get(ai);
}

/** The identifier that a text begins with, or undefined. Identifiers are prefix-free, so the first hit is the one. */
export function leadingForm(text: string): AiForm | undefined {
  for (const length of [2, 3, 4]) {
    const found = text.length >= length ? FORMS.get(text.slice(0, length)) : undefined;
    if (found) return found;
  }
  return undefined;
}
