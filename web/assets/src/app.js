import Alpine from "@alpinejs/csp";
import focus from "@alpinejs/focus";
import board from "./board.js";
import keys from "./keys.js";
import copy from "./copy.js";
import printing from "./printing.js";

Alpine.plugin(focus);
Alpine.data("board", board);
Alpine.data("keys", keys);
Alpine.data("copy", copy);
Alpine.data("printing", printing);
Alpine.start();
