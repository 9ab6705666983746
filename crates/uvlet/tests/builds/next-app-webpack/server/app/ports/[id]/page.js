module.exports=require("next");
