import type { Shop } from '../../../core/workshop/people/answers.js';
import { readInput } from '../../../core/base/checking/input.js';
import { BOOKED_KIND_KEYS } from '../../../core/workshop/job-kinds/kinds.js';
import type { BillsAnswer } from '../../../core/workshop/prices/answers.js';
import type { PriceList } from '../../../core/workshop/prices/rates.js';
import {
  billsSchema,
  priceSchema,
  ratesSchema,
  type BillsQuery,
  type PriceEdit,
  type RatesEdit,
} from '../../../core/workshop/prices/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { readBills } from './bills.js';
import { readPriceList } from './priceList.js';
import { setCoolantPrice, setItemPrice, setRates } from './rates.js';

const rates = ratesSchema(BOOKED_KIND_KEYS);

export function priceRoutes(routes: Routes): void {
  routes.get<PriceList>('/price-list', readPriceList);
  routes.get<BillsAnswer>('/bills', (ask) => readBills(ask, readInput<BillsQuery>(billsSchema, { ...ask.request.query })));
  routes.put<Shop>('/workshop/rates', (ask) => setRates(ask, bodyAs<RatesEdit>(ask.request, rates)));
  routes.put<{ id: string }>('/coolants/:id/price', (ask) => setCoolantPrice(ask, bodyAs<PriceEdit>(ask.request, priceSchema)));
  routes.put<{ id: string }>('/store/items/:id/price', (ask) => setItemPrice(ask, bodyAs<PriceEdit>(ask.request, priceSchema)));
}
