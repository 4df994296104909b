package contact_test

import (
	"testing"

	"valiantmule/internal/core/study/contact"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, contact.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, contact.Study) }
