"""After the class: what traces and scores say."""
