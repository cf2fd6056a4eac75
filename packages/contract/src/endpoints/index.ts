/** The table of endpoints: all of them. */
import type { Spec } from '../endpoint';
import { ADOPTING_ENDPOINTS } from './adopting';
import { BATCH_ENDPOINTS } from './batches';
import { BLOCK_ENDPOINTS } from './blocks';
import { CARRY_ENDPOINTS } from './carry-over';
import { CHECK_ENDPOINTS } from './checks';
import { COMPARE_ENDPOINTS } from './compare';
import { CONVENTION_ENDPOINTS } from './conventions';
import { ENTRANCE_ENDPOINTS } from './entrance';
import { INTAKE_ENDPOINTS } from './intake';
import { LIST_ENDPOINTS } from './lists';
import { NUMBER_ENDPOINTS } from './numbers';
import { OUTSIDE_ENDPOINTS } from './outside';
import { PACKAGE_ENDPOINTS } from './packages';
import { PEOPLE_ENDPOINTS } from './people';
import { PROJECT_ENDPOINTS } from './projects';
import { RULE_SET_ENDPOINTS } from './rule-set';
import { TEMPLATE_ENDPOINTS } from './templates';
import { UPLOAD_ENDPOINTS } from './uploads';
import { VOLUME_ENDPOINTS } from './volumes';

export {
  ADOPTING_ENDPOINTS,
  BATCH_ENDPOINTS,
  BLOCK_ENDPOINTS,
  CARRY_ENDPOINTS,
  CHECK_ENDPOINTS,
  COMPARE_ENDPOINTS,
  CONVENTION_ENDPOINTS,
  ENTRANCE_ENDPOINTS,
  INTAKE_ENDPOINTS,
  LIST_ENDPOINTS,
  NUMBER_ENDPOINTS,
  OUTSIDE_ENDPOINTS,
  PACKAGE_ENDPOINTS,
  PEOPLE_ENDPOINTS,
  PROJECT_ENDPOINTS,
  RULE_SET_ENDPOINTS,
  TEMPLATE_ENDPOINTS,
  UPLOAD_ENDPOINTS,
  VOLUME_ENDPOINTS,
};

export const ENDPOINTS = {
  ...ADOPTING_ENDPOINTS,
  ...BATCH_ENDPOINTS,
  ...BLOCK_ENDPOINTS,
  ...CARRY_ENDPOINTS,
  ...CHECK_ENDPOINTS,
  ...COMPARE_ENDPOINTS,
  ...CONVENTION_ENDPOINTS,
  ...ENTRANCE_ENDPOINTS,
  ...INTAKE_ENDPOINTS,
  ...LIST_ENDPOINTS,
  ...NUMBER_ENDPOINTS,
  ...OUTSIDE_ENDPOINTS,
  ...PACKAGE_ENDPOINTS,
  ...PEOPLE_ENDPOINTS,
  ...PROJECT_ENDPOINTS,
  ...RULE_SET_ENDPOINTS,
  ...TEMPLATE_ENDPOINTS,
  ...UPLOAD_ENDPOINTS,
  ...VOLUME_ENDPOINTS,
} as const satisfies Readonly<Record<string, Spec>>;
export type Endpoints = typeof ENDPOINTS;
export type EndpointName = keyof Endpoints;
