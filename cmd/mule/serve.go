package main

func serve(args []string) error   { return nil }
func runDemo(args []string) error { return nil }
func migrate(args []string) error { return nil }
