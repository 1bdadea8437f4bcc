import type { Dto } from '../../api/client';
import type { WhyTerm } from '../../ui/why';

type Plan = Dto['ItemPlanDto'];

const term = (sign: string, words: string, units: number, documents: readonly string[] = []): WhyTerm => ({
  sign,
  term: words,
  units,
  documents: [...documents],
});
const few = (list: Plan['arrivals']) => list.slice(0, 4).map((d) => d.document);

/** What is free and coming, term by term. */
export function madeOf(plan: Plan): WhyTerm[] {
  return [
    term('', 'on hand', plan.onHand),
    ...(plan.held > 0 ? [term('−', 'held', plan.held)] : []),
    ...(plan.reserved > 0 ? [term('−', 'reserved for orders', plan.reserved)] : []),
    ...(plan.owed > 0 ? [term('−', 'owed to orders that wait', plan.owed, few(plan.promised))] : []),
    ...(plan.onOrder > 0 ? [term('+', 'on its way', plan.onOrder, few(plan.arrivals))] : []),
    ...(plan.drafts > 0 ? [term('+', 'on drafts that are not placed', plan.drafts)] : []),
    ...(plan.within > 0 ? [term('+', 'within assemblies that are free', plan.within)] : []),
    term('=', 'free and coming', plan.position),
  ];
}

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;

/** Why it is ordered at this point, and how many. */
export function pointOf(plan: Plan): WhyTerm[] {
  const point = plan.point ?? 0;
  return [
    term('', `expected in the ${Math.round(plan.leadDays)} days that an order takes`, point - plan.safety),
    term('+', `safety stock: weeks differ by ±${Math.round(plan.weekSd)}, the lead time by ±${Math.round(plan.leadSd * 10) / 10} days, next chance in ${plan.reviewDays}; ${percent(plan.service)} are to be met`, plan.safety), // prettier-ignore
    term('=', 'order at', point),
    term('', 'and then up to', point + plan.size),
  ];
}

const METHODS: Readonly<Record<string, string>> = {
  level: 'Weeks keep to one level',
  trend: 'It grows or falls steadily',
  season: 'It has seasons of its own',
  'season of its class': 'It has the seasons of its class until its own are known better',
  'season and trend': 'It has seasons, and grows or falls',
  chance: 'It is asked for now and then, by chance',
  discontinued: 'Nobody has asked for it for longer than chance explains',
  'nothing known': 'Nobody has asked for it yet',
};

/** What is expected and why, in a sentence. */
export function methodSays(plan: Plan): string {
  const weeks = plan.history.length - 1;
  const method = METHODS[plan.method] ?? plan.method;
  if (plan.weekMean <= 0) return `${method}; nothing is expected, by ${weeks} weeks`;
  return `${method}: some ${Math.round(plan.weekMean * 10) / 10} ${plan.unitPlural} a week are expected, by what would have been nearest in ${weeks} weeks`;
}
