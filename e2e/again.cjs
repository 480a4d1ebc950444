/** A journey that fails on a machine under load is driven once more, with what went wrong printed; the run names it. */
jest.setTimeout(240_000);
jest.retryTimes(1, { logErrorsBeforeRetry: true });
