import { TestEnvironment } from 'jest-environment-jsdom';

/** Requests to an address of the page's own, as browsers make them. */
class OwnRequest extends Request {
  constructor(input, init) {
    super(typeof input === 'string' ? new URL(input, 'http://localhost') : input, init);
  }
}

/** A page to test in: jsdom, with what browsers have and it leaves out. */
export default class Page extends TestEnvironment {
  async setup() {
    await super.setup();
    // Clients take hold of fetch when they are loaded; who answers it is said by each test (src/testing/house).
    const fetch = (input, init) => this.global.answer(input instanceof Request ? input : new OwnRequest(input, init));
    Object.assign(this.global, { fetch, Request: OwnRequest, Response, Headers, structuredClone, TextEncoder, TextDecoder });
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
