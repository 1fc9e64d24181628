/** Showing who somebody is: passwords as they are kept, and the second factor. */
export { hashPassword, isPassword } from './password'
export { newSecret, takeSecondCode, takeSecondFactor } from './second-factor'
