import './log.js';
