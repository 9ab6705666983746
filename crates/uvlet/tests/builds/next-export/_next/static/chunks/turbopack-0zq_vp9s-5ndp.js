(()=>{if(!Array.isArray(globalThis.TURBOPACK))return})();
