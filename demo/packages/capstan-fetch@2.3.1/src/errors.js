export class HttpError extends Error {
  constructor(url, status, body) {
    super(`${url} answered ${status}`);
    this.name = "HttpError";
    this.status = status;
    this.body = body;
  }
  get isClient() {
    return this.status >= 400 && this.status < 500;
  }
}
export class TimeoutError extends Error {
  constructor(url, after) {
    super(`${url} did not answer within ${after} ms`);
    this.name = "TimeoutError";
  }
}
