"""What ./bootmark worker runs."""

from bootmark.worker.tasks import main

main()
