// Door of the requests.
export { groupWishes, type Wish, type WishGroup } from './wishes.js';
