import { ENDPOINTS, type Endpoint, type EndpointName, endpointOf, problemSchema } from '@fettle/core';
import { z } from 'zod';

/** What can be wrong with any request. */
const ANYWHERE = [
  'bad-request',
  'wrong-host',
  'not-signed-in',
  'not-allowed',
  'too-many',
  'too-busy',
  'not-ready',
  'disk-full',
  'server-fault',
] as const;
/** What can be wrong with what the owner alone may do. */
const OF_THE_OWNER = ['password-needed'] as const;
/** What can be wrong with any request that has a body. */
const WITH_BODY = ['not-json', 'unsupported', 'too-large'] as const;

/** Every endpoint, in the order in which they are described. */
export function allEndpoints(): Endpoint[] {
  return (Object.keys(ENDPOINTS) as EndpointName[]).map(endpointOf);
}

export function hasBody({ body }: Endpoint): boolean {
  return !body.safeParse(undefined).success;
}

/** What may be wrong with a request to an endpoint. */
export function problemsOf(endpoint: Endpoint) {
  const owners = endpoint.needs === 'people' ? OF_THE_OWNER : [];
  return [...new Set([...endpoint.problems, ...owners, ...(hasBody(endpoint) ? WITH_BODY : []), ...ANYWHERE])];
}

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): object {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return rest;
}

function parametersOf({ path, query }: Endpoint): object[] {
  return [
    { place: 'path', schema: path },
    { place: 'query', schema: query },
  ].flatMap(({ place, schema }) =>
    Object.entries(schema.shape).map(([name, field]) => ({
      name,
      in: place,
      required: !(field as z.ZodType).safeParse(undefined).success,
      schema: schemaOf(field as z.ZodType, 'input'),
    })),
  );
}

function responsesOf(endpoint: Endpoint): object {
  const { answer, statuses, isTagged, files } = endpoint;
  const content = files
    ? Object.fromEntries(files.map((type) => [type, { schema: { type: 'string', format: 'binary' } }]))
    : { 'application/json': { schema: schemaOf(answer, 'output') } };
  return {
    ...Object.fromEntries(Object.entries(statuses).map(([status, description]) => [status, { description, content }])),
    ...(isTagged ? { 304: { description: 'Unchanged since the tag that was sent' } } : {}),
    default: {
      description: `Problem details (RFC 9457): ${problemsOf(endpoint).join(', ')}`,
      content: { 'application/problem+json': { schema: schemaOf(problemSchema, 'output') } },
    },
  };
}

/** The OpenAPI 3.1 description of the API, made from the descriptions that it is served from. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const endpoint of allEndpoints()) {
    const { method, at, summary, body } = endpoint;
    paths[at] ??= {};
    paths[at][method] = {
      summary,
      parameters: parametersOf(endpoint),
      ...(hasBody(endpoint)
        ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(body, 'input') } } } }
        : {}),
      responses: responsesOf(endpoint),
    };
  }
  return { openapi: '3.1.0', info: { title: 'Fettle', version: '0.1.0' }, paths };
}
