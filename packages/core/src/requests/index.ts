// Door of the requests.
export { groupRequests, type ValueRequest, type ValueRequestGroup } from './requests.js';
