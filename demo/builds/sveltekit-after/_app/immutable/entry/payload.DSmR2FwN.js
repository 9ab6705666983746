var e={};function t(t){e=t}export{e as payload,t as set_payload};
//# sourceMappingURL=payload.DSmR2FwN.js.map