# frozen_string_literal: true

require "digest"

module Server
  module Pictures
    # What pictures depend on, in one place: every cache on disk, every address of a picture in a
    # browser and every table kept with an output goes by it. The versions of engine and decoding, files of
    # the library and stamps of clips are in it, so that nothing stale can be found.
    module Depends
      module_function

      # @return [String] of decoded frames of a clip at a raster, besides their number
      # @raise [Mordant::MediaError] of a file that is gone
      def frames(clip, width, height)
        parts = [Mordant::DECODING, clip.placeholder? ? clip.status : clip.file, *clip.stamps, width, height, clip.range, clip.matrix, *([clip.rate, clip.project.rate] if clip.paced?), *(clip.fit if clip.other_shape? && clip.fit != "stretch")]
        Digest::SHA256.hexdigest(parts.join("|"))[0, 32]
      end

      # @param recipe [Mordant::Grade::Recipe]
      # @param encoding [String] id of what goes in
      # @return [String] of what a grade makes of codes: the digest of all its parts
      def grade(project, recipe, encoding)
        before, after = [Mordant::ENGINE, project.working_space, project.compress_gamut], [encoding, Mordant::Colour::Encoding.own.stamp(encoding)]
        Digest::SHA256.hexdigest("[#{[*before.map(&:to_json), text(recipe), *after.map(&:to_json)].join(",")}]")
      end

      # @param view [Mordant::Grade::View]
      # @return [String] of what is made of graded pictures for a target
      def view(view) = digest(Mordant::ENGINE, view.to_h, view.stamps, Mordant::Colour::Encoding.own.stamp(view.encoding))

      # @param project [Project]
      # @return [String] short, of all its pictures besides clips and recipes by their revisions
      def project(project) = digest(Mordant::ENGINE, project.working_space, project.compress_gamut, project.targets.first, project.view.stamps, files([project]).fetch(project.id), *(project.mixing unless project.mixing == "log"))[0, 12]

      # Looks once for several projects what files their pictures are made with.
      #
      # @param projects [Array<Project>]
      # @return [Hash{Integer => Array}] stamps of files of the library, by project
      def files(projects)
        ids = projects.map(&:id)
        known = projects.filter_map { |one| [one.id, one.files] if one.files }.to_h
        return known if known.size == ids.size

        luts = graded_with_files(ids).group_by(&:first).transform_values { |rows| rows.flat_map { |_, document| Mordant::Grade::Recipe.new(document).stamps }.uniq.sort_by(&:to_s) }
        encodings = Clip.where(project_id: ids).distinct.pluck(:project_id, :encoding).group_by(&:first)
          .transform_values { |rows| rows.filter_map { |_, id| Mordant::Colour::Encoding.own.stamp(id) }.sort_by(&:to_s) }
        projects.to_h { |one| [one.id, one.files = [luts.fetch(one.id, []), encodings.fetch(one.id, [])]] }
      end

      # @return [Array<Array(Integer, Hash)>] project and document of recipes with steps that read files
      def graded_with_files(ids)
        kinds = Mordant::Steps.all.select(&:reads_files?).map { |kind| {steps: [{kind: kind.id}]}.to_json }
        Recipe.left_joins(:shot, :wash, :family).joins("JOIN cuts ON cuts.id = COALESCE(shots.cut_id, washes.cut_id, families.cut_id)").where(cuts: {project_id: ids})
          .where("document @> ANY (ARRAY[?]::jsonb[])", kinds).pluck("cuts.project_id", :document)
      end

      def digest(*parts) = Digest::SHA256.hexdigest(parts.to_json)

      # A request asks for the same recipe several times.
      #
      # @return [String] stamp of a recipe as JSON
      def text(recipe)
        stamps = recipe.stamps
        known = TEXTS[recipe]
        return known.last if known && known.first == stamps

        recipe.stamp.to_json.tap { |text| TEXTS[recipe] = [stamps, text].freeze }
      end
      TEXTS = ObjectSpace::WeakMap.new # what was said of a recipe, and stamps of its files then, for as long as there is room
      private_constant :TEXTS
    end
  end
end
