import"node:http";
