# frozen_string_literal: true

require "mordant/vips"

module Mordant
  module CommandLine
    # Writes what of a picture a step acts on, white where it acts in full.
    module Matte
      USAGE = "matte --recipe FILE --step ID --from ID IN OUT.png\n" \
              "    a step's matte as grey of 16 bits; IN and OUT as for grade"

      module_function

      def call(arguments, **)
        source, target, options = CommandLine.pictures_and("matte", arguments, needed: %i[recipe step from])
        run(source, target, **options)
      end

      def run(source, target, recipe:, step:, from:)
        document = Mordant::Grade::Links.within(Grade.read_recipe(recipe))
        before = document.before(step)
        pictures = Pictures.new(source, target)
        plans = Hash.new { |made, recipe| made[recipe] = Mordant::Grade::Plan.new(recipe:, source: pictures.encoding(from)) }
        pictures.each(window: before.window) do |codes, around, index, path|
          write(weights(document.at(index), step, Mordant::Grade::Moment.of(codes, around:), plans[before.at(index)]), codes, path)
        end
      end

      # A step without a matte acts everywhere.
      def weights(recipe, step, moment, plan)
        entry = recipe.entries.find { |one| one.id == step }
        entry.matte ? Mordant::Grade::Acting.new(recipe, id: step, whole: true) { plan }.weights(moment) : Numo::SFloat.ones(moment.window.size)
      end

      def write(weights, codes, path)
        grey = Numo::UInt16.cast((Numo::DFloat.cast(weights) * 65_535).round)
        Vips::Image.new_from_memory(grey.to_binary, codes.width, codes.height, 1, :ushort).copy(interpretation: :grey16).write_to_file(path)
      rescue Vips::Error => e
        raise MediaError.new(path, "it cannot be written: #{e.message.lines.first.to_s.strip}")
      end
    end
  end
end
