"""What is kept: tables, migrations, and what reads and writes them."""
