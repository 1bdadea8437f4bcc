import type { Duty } from '../identity/index.js';

export interface DemoPerson {
  name: string;
  email: string;
  duties: Duty[];
  says: string;
  badge: string;
  pin: string;
  seesCosts: boolean;
  sites: string[];
}

/** The same made-up password for everybody in the demo. */
export const DEMO_PASSWORD = 'thistle-and-tarn';

const ALL = ['MILL', 'QUAY', 'BARN'];

export const DEMO_PEOPLE: readonly DemoPerson[] = [
  {
    name: 'Maren Holt',
    email: 'maren@tarnthistle.example',
    duties: ['owner'],
    says: 'owner',
    badge: 'V-1001',
    pin: '4101',
    seesCosts: true,
    sites: ALL,
  },
  {
    name: 'Piet Sallow',
    email: 'piet@tarnthistle.example',
    duties: ['buyer'],
    says: 'buyer',
    badge: 'V-1002',
    pin: '4102',
    seesCosts: true,
    sites: ALL,
  },
  {
    name: 'Orla Finch',
    email: 'orla@tarnthistle.example',
    duties: ['order-desk'],
    says: 'order desk',
    badge: 'V-1003',
    pin: '4103',
    seesCosts: false,
    sites: ALL,
  },
  {
    name: 'Ruben Tay',
    email: 'ruben@tarnthistle.example',
    duties: ['receiver'],
    says: 'receiver',
    badge: 'V-1004',
    pin: '4104',
    seesCosts: false,
    sites: ALL,
  },
  {
    name: 'Ines Calder',
    email: 'ines@tarnthistle.example',
    duties: ['picker'],
    says: 'picker',
    badge: 'V-1005',
    pin: '4105',
    seesCosts: false,
    sites: ['MILL'],
  },
  {
    name: 'Joss Arkle',
    email: 'joss@tarnthistle.example',
    duties: ['picker'],
    says: 'picker',
    badge: 'V-1006',
    pin: '4106',
    seesCosts: false,
    sites: ['MILL'],
  },
  {
    name: 'Dilys Marr',
    email: 'dilys@tarnthistle.example',
    duties: ['packer'],
    says: 'packer',
    badge: 'V-1007',
    pin: '4107',
    seesCosts: false,
    sites: ['MILL'],
  },
  {
    name: 'Corin Vail',
    email: 'corin@tarnthistle.example',
    duties: ['reviewer', 'counter'],
    says: 'count reviewer',
    badge: 'V-1008',
    pin: '4108',
    seesCosts: true,
    sites: ALL,
  },
  {
    name: 'Beth Quarrie',
    email: 'beth@tarnthistle.example',
    duties: ['bookkeeper'],
    says: 'bookkeeper',
    badge: 'V-1009',
    pin: '4109',
    seesCosts: true,
    sites: ALL,
  },
];

/** What the demo's sign-in page shows. */
export function demoSignIns() {
  return DEMO_PEOPLE.map((p) => ({
    name: p.name,
    duty: p.says,
    email: p.email,
    password: DEMO_PASSWORD,
    badge: p.badge,
    pin: p.pin,
  }));
}
