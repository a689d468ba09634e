export { jobDocumentSchema, jobViewSchema, readingSchema } from '@fettle/core';
