using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>The one way to change what is stored.</summary>
public sealed class WriteTests
{
    [Fact]
    public async Task Nothing_is_saved_outside_of_a_write()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await RefusedAsync(async db =>
        {
            (await db.Forms.AsTracking().FirstAsync()).LightOn = false;
            await db.SaveChangesAsync();
        });
        await RefusedAsync(db => db.Forms.ExecuteUpdateAsync(forms => forms.SetProperty(form => form.LightOn, false)));
        await RefusedAsync(db => db.Events.ExecuteDeleteAsync());
        await RefusedAsync(async db =>
        {
            await using (var write = await db.WriteAsync(CancellationToken.None))
                await write.SaveAsync(CancellationToken.None);
            (await db.Forms.AsTracking().FirstAsync()).LightOn = false;
            await db.SaveChangesAsync();
        });
        (await app.AskAsync(db => db.Forms.AllAsync(form => form.LightOn))).ShouldBeTrue();

        async Task RefusedAsync(Func<PorchDb, Task> change)
        {
            var refused = await Should.ThrowAsync<Exception>(() =>
                app.AskAsync(async db =>
                {
                    await change(db);
                    return true;
                })
            );
            (refused.InnerException ?? refused).ShouldBeOfType<InvalidOperationException>().Message.ShouldContain("WriteAsync");
        }
    }

    [Fact]
    public async Task What_is_not_saved_never_happened_and_the_next_writer_gets_the_turn()
    {
        await using var app = new TestApp();
        await app.AskAsync(async db =>
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            await db.Forms.ExecuteUpdateAsync(forms => forms.SetProperty(form => form.LightOn, false));
            return true;
        });
        (await app.AskAsync(db => db.Forms.AllAsync(form => form.LightOn))).ShouldBeTrue();
        await app.ChangeAsync(db => db.Forms.ExecuteUpdateAsync(forms => forms.SetProperty(form => form.LightOn, false)));
        (await app.AskAsync(db => db.Forms.AnyAsync(form => form.LightOn))).ShouldBeFalse();
    }

    [Fact]
    public async Task A_write_within_a_write_of_the_same_request_is_refused_rather_than_waiting_for_itself()
    {
        await using var app = new TestApp();
        await app.AskAsync(async db =>
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            await Should.ThrowAsync<InvalidOperationException>(() => db.WriteAsync(CancellationToken.None));
            return true;
        });
    }

    [Fact]
    public async Task A_write_refuses_what_was_read_to_be_changed_or_added_before_its_lock()
    {
        await using var app = new TestApp();
        await RefusedAsync(db => db.Forms.AsTracking().FirstAsync());
        await RefusedAsync(db => Task.FromResult(db.ClientTags.Add(new ClientTag { ClientId = default, Tag = "early" })));

        async Task RefusedAsync<T>(Func<PorchDb, Task<T>> before) =>
            await app.AskAsync(async db =>
            {
                await before(db);
                (await Should.ThrowAsync<InvalidOperationException>(() => db.WriteAsync(CancellationToken.None))).Message.ShouldContain(
                    "before the write lock"
                );
                return true;
            });
    }

    [Fact]
    public async Task What_is_read_outside_of_a_write_is_only_read_and_within_one_it_is_held_until_it_ends()
    {
        await using var app = new TestApp();
        await app.AskAsync(async db =>
        {
            var read = await db.Forms.FirstAsync();
            var business = await db.BusinessAsync();
            db.ChangeTracker.Entries().ShouldBeEmpty();
            (await db.BusinessAsync()).ShouldBeSameAs(business);
            await using (var write = await db.WriteAsync(CancellationToken.None))
            {
                (await db.BusinessAsync()).ShouldNotBeSameAs(business);
                var held = (await db.Forms.FindAsync(read.Id))!;
                held.ShouldNotBeSameAs(read);
                held.AwayNote = "Back in spring.";
                await write.SaveAsync(CancellationToken.None);
            }

            db.ChangeTracker.Entries().ShouldBeEmpty();
            (await db.Forms.FindAsync(read.Id))!.AwayNote.ShouldBe("Back in spring.");
            return true;
        });
    }

    [Fact]
    public async Task What_was_read_holds_until_something_is_written_and_an_abandoned_write_is_none()
    {
        await using var app = new TestApp();
        var mark = await app.AskAsync(db => Task.FromResult(db.Mark()));
        await app.AskAsync(async db =>
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            await db.Forms.ExecuteUpdateAsync(forms => forms.SetProperty(form => form.LightOn, false));
            return true;
        });
        (await app.AskAsync(db => Task.FromResult(db.IsUnchangedSince(mark)))).ShouldBeTrue();
        await app.ChangeAsync(db => db.Forms.ExecuteUpdateAsync(forms => forms.SetProperty(form => form.LightOn, false)));
        (await app.AskAsync(db => Task.FromResult(db.IsUnchangedSince(mark)))).ShouldBeFalse();
    }

    [Fact]
    public async Task A_version_that_was_made_in_an_abandoned_write_is_never_seen()
    {
        await using var app = new TestApp();
        var form = await app.AskAsync(db => db.Forms.FirstAsync());
        await app.AskAsync(async db =>
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            db.Publish(await db.Forms.SingleAsync(one => one.Id == form.Id), BusinessLists.Empty, app.Now, "Maren Tolliver");
            await db.SaveChangesAsync();
            (await db.FormVersionAsync(form.Id, form.PublishedVersion + 1)).ShouldNotBeNull("the write itself sees it");
            return true;
        });
        (await app.AskAsync(db => db.FormVersionAsync(form.Id, form.PublishedVersion + 1))).ShouldBeNull();
        (await app.AskAsync(db => db.FormVersionAsync(form.Id, form.PublishedVersion))).ShouldNotBeNull();
    }
}
