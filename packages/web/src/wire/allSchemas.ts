export { PAGE_ENDPOINTS } from '@fettle/core';
