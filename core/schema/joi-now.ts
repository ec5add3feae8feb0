import Joi from "joi";
import { giveJoi } from "./rule";

// Imported where rules are held from the first moment on, and nobody waits for what is loaded.
giveJoi(Joi);
