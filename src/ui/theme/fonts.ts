// The fonts ship with the app; nothing is fetched from elsewhere.
import '@fontsource/alegreya-sans/400.css';
import '@fontsource/alegreya-sans/500.css';
import '@fontsource/alegreya-sans/700.css';
import '@fontsource/alegreya-sans/800.css';
import '@fontsource/alegreya/500.css';
import '@fontsource/alegreya/700.css';
