package web

// Compress is how answers are compressed, for a benchmark's bare handler.
var Compress = compress
