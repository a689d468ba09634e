export { FIRST_ENDPOINTS } from '@fettle/core';
