"""The report: pages that can be sent, each in one file, that load nothing and run nothing of others."""
