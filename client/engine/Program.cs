// The page calls the exports; nothing runs by itself.
return 0;
