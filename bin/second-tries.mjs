/** A reporter for Vitest: names at the end each test that passed at its second try, with what the first met. */
export default class SecondTries {
  tries = []

  onTestCaseResult(test) {
    if (test.diagnostic()?.retryCount && test.result().state === 'passed') this.tries.push(test)
  }

  onTestRunEnd() {
    for (const test of this.tries)
      console.log(
        `Passed at its second try: ${test.module.relativeModuleId} > ${test.fullName}\n` +
          (test.result().errors ?? []).map(({ message }) => `  ${message}\n`).join(''),
      )
  }
}
