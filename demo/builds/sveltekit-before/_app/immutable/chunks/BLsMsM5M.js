import{j as e}from"./2psnPazZ.js";e();
//# sourceMappingURL=BLsMsM5M.js.map