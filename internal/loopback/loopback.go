// Package loopback tells what stays on this machine.
package loopback

import (
	"net"
	"net/netip"
)

// Is tells whether host:port can be reached from this machine alone.
func Is(address string) bool {
	host, _, err := net.SplitHostPort(address)
	if err != nil {
		return false
	}
	ip, err := netip.ParseAddr(host)
	return host == "localhost" || err == nil && ip.IsLoopback()
}
