!function(){}();
