// Package thirdparty holds the browser assets that are vendored from npm; its
// README says which, and `make assets` brings them.
package thirdparty

import "embed"

// Files are the assets that pages use. What only tests use stays on disk.
//
//go:embed bootstrap/bootstrap.min.css alpinejs/alpine-csp.min.js bootstrap-icons/*.svg fonts/*.woff2
var Files embed.FS

//go:embed passwords/common.txt
var passwords string

// CommonPasswords are those that are guessed first, in lower case, a line each, in the
// order of their bytes.
func CommonPasswords() string { return passwords }
