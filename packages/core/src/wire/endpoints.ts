import type { z } from 'zod';
import { fitPlanSchema } from '../fit/format/fitPlan.js';
import { fitRequestSchema } from '../fit/format/fitRequest.js';
import { shimPlanSchema } from '../fit/format/shimPlan.js';
import { shimRequestSchema } from '../fit/format/shimRequest.js';
import { AUDIT_FILES } from './accessWire.js';
import { type Endpoint, endpoint } from './endpoint.js';
import { INSTRUMENT_FILES } from './instrumentWire.js';
import { PAGE_ENDPOINTS } from './pageEndpoints.js';
import { FILE_ENDPOINTS } from './sheetWire.js';

/** Everything that can be asked of the server, each thing once. */
export const ENDPOINTS = {
  ...PAGE_ENDPOINTS,
  ...FILE_ENDPOINTS,
  ...INSTRUMENT_FILES,
  ...AUDIT_FILES,
  fit: endpoint({
    method: 'post',
    at: '/api/fit',
    needs: 'read',
    summary: 'Select shells: a fit request in, its plan out',
    body: fitRequestSchema,
    answer: fitPlanSchema,
    problems: ['invalid-request', 'took-too-long'],
    largestMb: 4,
    isReadByWorker: true,
  }),
  shims: endpoint({
    method: 'post',
    at: '/api/shims',
    needs: 'read',
    summary: 'Select rings, washers, flanged shells or shims: a shim request in, its plan out',
    body: shimRequestSchema,
    answer: shimPlanSchema,
    problems: ['invalid-request', 'took-too-long'],
    isReadByWorker: true,
  }),
} as const;
export type Endpoints = typeof ENDPOINTS;
export type EndpointName = keyof Endpoints;

type Part<Name extends EndpointName, Member extends 'path' | 'query' | 'body' | 'answer'> = Endpoints[Name][Member];

/** Names with their values; nothing where there are no names. */
type Names<Value> = string extends keyof Value ? unknown : Value;

/** What an endpoint is asked with: the names of its path and its query together, and its body. */
export type Asked<Name extends EndpointName> = Names<z.input<Part<Name, 'path'>>> &
  Names<z.input<Part<Name, 'query'>>> &
  (z.output<Part<Name, 'body'>> extends undefined ? unknown : { readonly body: z.output<Part<Name, 'body'>> });

/** What an endpoint was asked with, as the server has read it. */
export interface Read<Name extends EndpointName> {
  readonly path: z.output<Part<Name, 'path'>>;
  readonly query: z.output<Part<Name, 'query'>>;
  readonly body: z.output<Part<Name, 'body'>>;
}

/** What an endpoint answers. */
export type Answered<Name extends EndpointName> = z.output<Part<Name, 'answer'>>;

/** The endpoints that only read: the browser keeps their answers until something they tell of changes. */
export type QueryName = {
  [Name in EndpointName]: Endpoints[Name]['method'] extends 'get' ? Name : never;
}[EndpointName];

/** One endpoint by its name, as any of them. */
export function endpointOf(name: EndpointName): Endpoint {
  return ENDPOINTS[name] as unknown as Endpoint;
}
