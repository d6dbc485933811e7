"""One scale of speeds: parts placed on it, charts reconciled, parts as good as another."""
