package tyres_test

import (
	"testing"

	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }
