/** The two-sided 95% quantile of the normal distribution: every interval that Satchel shows is of 95%. */
export const Z95 = 1.959963984540054
