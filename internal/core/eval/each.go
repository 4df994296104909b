package eval

import (
	"runtime"
	"sync"
	"sync/atomic"
)

// each does n things that need nothing of each other, side by side on as many processors
// as there are. What panics does so in the caller, who may catch it.
func each(n int, do func(i int)) {
	if n == 1 {
		do(0)
		return
	}
	var next atomic.Int64
	var all sync.WaitGroup
	var panicked atomic.Pointer[any]
	for range min(n, runtime.GOMAXPROCS(0)) {
		all.Go(func() {
			defer func() {
				if p := recover(); p != nil {
					panicked.CompareAndSwap(nil, &p)
				}
			}()
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	all.Wait()
	if p := panicked.Load(); p != nil {
		panic(*p)
	}
}
