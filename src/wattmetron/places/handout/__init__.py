"""What is handed over: pages, texts, files, sets of builds, links."""
