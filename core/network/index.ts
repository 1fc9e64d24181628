/** Addresses of the internet: which are public, and which network one is in. */
export { isPublicAddress } from './public-address'
export { networkOf } from './network-of'
