"""The pages: one folder a screen, each with its routes, its view and its templates."""
