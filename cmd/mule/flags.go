package main

import (
	"crypto/tls"
	"flag"
	"fmt"
	"io"
	"net/netip"
	"net/url"
	"os"
	"runtime/debug"
	"strings"
	"time"

	"valiantmule/internal/letter"
	"valiantmule/internal/loopback"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
)

// serving is what the flags of serve say.
type serving struct {
	web.Options
	cert, key string // files
	quotas    store.Quotas
	gogc      int   // percent, as of the variable GOGC
	limit     int64 // MiB, soft, as of GOMEMLIMIT
	idle      time.Duration
	smtp      letter.SMTP
	metrics   string // address on loopback
}

// usual: a page makes much garbage and keeps little, so the heap may grow to five
// times of what lives, and near the limit to less.
var usual = serving{Options: web.Options{Kept: 24 << 20, Slow: time.Second}, quotas: store.UsualQuotas, gogc: 400, limit: 120, idle: store.UsualIdle}

// mostMiB is above what any machine has, and far below what a count of bytes holds.
const mostMiB = 1 << 30

// readFlags takes the flags off the arguments.
func readFlags(args []string) (serving, []string, error) {
	o := usual
	memo, megabytes := o.Kept>>20, o.quotas.Bytes>>20
	var proxies, names string
	flags := flag.NewFlagSet("serve", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	flags.StringVar(&o.cert, "tls-cert", "", "")
	flags.StringVar(&o.key, "tls-key", "", "")
	flags.StringVar(&proxies, "proxy", "", "")
	flags.StringVar(&names, "hosts", "", "")
	flags.StringVar(&o.Site, "site", "", "")
	flags.StringVar(&o.Contact, "contact", "", "")
	flags.StringVar(&o.smtp.Address, "smtp", "", "")
	flags.StringVar(&o.smtp.From, "from", "", "")
	flags.StringVar(&o.metrics, "metrics", "", "")
	flags.DurationVar(&o.idle, "idle", o.idle, "")
	flags.BoolVar(&o.HSTS, "hsts", false, "")
	flags.DurationVar(&o.Slow, "slow", o.Slow, "")
	flags.IntVar(&o.gogc, "gogc", o.gogc, "")
	flags.Int64Var(&o.limit, "memory-limit", o.limit, "")
	flags.Int64Var(&memo, "memo", memo, "")
	flags.IntVar(&o.quotas.Plans, "plans", o.quotas.Plans, "")
	flags.IntVar(&o.quotas.Bikes, "bikes", o.quotas.Bikes, "")
	flags.IntVar(&o.quotas.Things, "parts", o.quotas.Things, "")
	flags.IntVar(&o.quotas.Revisions, "revisions", o.quotas.Revisions, "")
	flags.IntVar(&o.quotas.Readings, "readings", o.quotas.Readings, "")
	flags.IntVar(&o.quotas.Tracks, "tracks", o.quotas.Tracks, "")
	flags.Int64Var(&megabytes, "megabytes", megabytes, "")
	if err := flags.Parse(args); err != nil {
		return o, nil, errUse{"serve: " + err.Error()}
	}
	o.Kept, o.quotas.Bytes = memo<<20, megabytes<<20
	for text := range strings.SplitSeq(proxies, ",") {
		if text == "" {
			continue
		}
		prefix, err := netip.ParsePrefix(text)
		if err != nil {
			return o, nil, errUse{"serve: -proxy wants addresses like 10.0.0.0/8 or 192.0.2.7/32, not " + text}
		}
		o.Proxies = append(o.Proxies, prefix)
	}
	if err := o.names(names); err != nil {
		return o, nil, err
	}
	switch {
	case o.idle < time.Minute:
		return o, nil, errUse{"serve: -idle is at least 1m"}
	case o.metrics != "" && !loopback.Is(o.metrics):
		return o, nil, errUse{"serve: -metrics wants an address on loopback, such as 127.0.0.1:9100: what it says is for this machine"}
	case o.gogc < 1 || o.limit < 1 || memo < 0 || o.limit > mostMiB || memo > mostMiB:
		return o, nil, errUse{fmt.Sprintf("serve: -gogc in percent and -memory-limit in MiB are at least 1, -memo in MiB at least 0; neither of the two is above %d", mostMiB)}
	case o.quotas.Plans < 1 || o.quotas.Bikes < 1 || o.quotas.Things < 1 || o.quotas.Revisions < 1 || o.quotas.Readings < 1 || o.quotas.Tracks < 1 || megabytes < 1 || megabytes > mostMiB:
		return o, nil, errUse{fmt.Sprintf("serve: -plans, -bikes, -parts, -revisions, -readings, -tracks and -megabytes are at least 1, the last at most %d", mostMiB)}
	case (o.cert == "") != (o.key == ""):
		return o, nil, errUse{"serve: -tls-cert and -tls-key go together"}
	case o.HSTS && o.cert == "" && len(o.Proxies) == 0:
		return o, nil, errUse{"serve: -hsts is for https, by -tls-cert or behind a -proxy"}
	}
	if o.cert != "" {
		if _, err := tls.LoadX509KeyPair(o.cert, o.key); err != nil {
			return o, nil, errUse{"serve: " + err.Error()}
		}
	}
	return o, flags.Args(), nil
}

// names are those that the site answers by, and where its letters come from.
func (o *serving) names(hosts string) error {
	if hosts != "" {
		o.Hosts = strings.Split(strings.ToLower(hosts), ",")
	}
	if o.Site != "" {
		at, err := url.Parse(o.Site)
		if err != nil || at.Scheme != "https" && at.Scheme != "http" || at.Host == "" || at.Path != "" || at.RawQuery != "" || at.Fragment != "" || at.User != nil {
			return errUse{"serve: -site wants where riders find it, such as https://mule.example, not " + o.Site}
		}
		o.Hosts = append(o.Hosts, strings.ToLower(at.Hostname()))
	}
	if o.Contact != "" && !strings.HasPrefix(o.Contact, "mailto:") && !strings.HasPrefix(o.Contact, "https://") {
		return errUse{"serve: -contact wants mailto:ADDRESS or https://…, not " + o.Contact}
	}
	if o.smtp.Address == "" {
		return nil
	}
	o.smtp.User, o.smtp.Password = os.Getenv("MULE_SMTP_USER"), os.Getenv("MULE_SMTP_PASSWORD")
	if err := o.smtp.Check(); err != nil {
		return errUse{"serve: -smtp and -from: " + err.Error()}
	}
	if o.Site == "" {
		return errUse{"serve: -smtp wants -site too: links in letters lead there"}
	}
	return nil
}

func (o serving) apply() {
	debug.SetGCPercent(o.gogc)
	debug.SetMemoryLimit(o.limit << 20)
}
