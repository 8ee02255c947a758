"""Tonight: the first page. What comes, who, what still lacks, whom to watch; and one finder for all pages."""
