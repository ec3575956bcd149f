import Alpine from "@alpinejs/csp";
import focus from "@alpinejs/focus";
import board from "./board.js";
import keys from "./keys.js";
import copy from "./copy.js";
import printing from "./printing.js";
import finder from "./finder.js";
import dose from "./dose.js";
import session from "./session.js";

Alpine.plugin(focus);
Alpine.data("board", board);
Alpine.data("keys", keys);
Alpine.data("copy", copy);
Alpine.data("printing", printing);
Alpine.data("finder", finder);
Alpine.data("dose", dose);
Alpine.data("session", session);
Alpine.start();
