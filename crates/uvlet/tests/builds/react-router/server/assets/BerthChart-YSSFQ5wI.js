import"node:stream";
